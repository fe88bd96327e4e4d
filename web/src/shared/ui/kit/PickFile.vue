<script setup lang="ts">
import type { UploadFile } from 'element-plus'

/** Files from this device: chosen, or dropped on the button. They are read here; what is sent is the page's to say. */
defineProps<{ accept: string; label: string; multiple?: boolean; busy?: boolean }>()
const emit = defineEmits<{ picked: [file: File] }>()
const take = (file: UploadFile) => file.raw && emit('picked', file.raw)
</script>

<template>
  <el-upload
    class="pick-file"
    action="#"
    :auto-upload="false"
    :show-file-list="false"
    :accept="accept"
    :multiple="multiple"
    :disabled="busy"
    @change="take"
  >
    <el-button class="key" tag="span" :loading="busy"
      ><slot>{{ label }}</slot></el-button
    >
  </el-upload>
</template>
